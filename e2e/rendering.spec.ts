import { expect, test } from './support/isomeros.js';

/** As much of a component as it is known by inside of the page. */
interface Fiber {
  readonly alternate: Fiber | null;
  readonly child: Fiber | null;
  readonly sibling: Fiber | null;
  readonly return: Fiber | null;
  readonly flags: number;
  /** An element where it is one, else a component. */
  readonly stateNode: unknown;
  readonly type: unknown;
}

/**
 * Counts what is rendered, by the name of the section around it. Components are asked in the way that developers' tools
 * do, which works in what is published, too.
 */
function countRendering(): void {
  const counts: Record<string, number> = {};
  const sectionOf = (fiber: Fiber): string => {
    let at: Fiber | null = fiber;
    while (at !== null && !(at.stateNode instanceof Element)) at = at.child;
    const element = at?.stateNode;
    if (!(element instanceof Element)) return 'Nothing';
    const section = element.closest('section[aria-label], header.bar, nav');
    return section?.getAttribute('aria-label') ?? (section === null ? 'Frame' : 'Top line');
  };
  const count = (fiber: Fiber): void => {
    const PERFORMED_WORK = 1;
    if (typeof fiber.type === 'function' && (fiber.flags & PERFORMED_WORK) !== 0) {
      const section = sectionOf(fiber);
      counts[section] = (counts[section] ?? 0) + 1;
    }
    if (fiber.alternate !== null && fiber.child === fiber.alternate.child) return;
    for (let child = fiber.child; child !== null; child = child.sibling)
      if (child.alternate === null || child !== child.alternate) count(child);
  };
  Object.assign(window, {
    rendered: counts,
    __REACT_DEVTOOLS_GLOBAL_HOOK__: {
      supportsFiber: true,
      inject: () => 1,
      onCommitFiberRoot: (_renderer: number, root: { readonly current: Fiber }) => {
        count(root.current);
      },
      onCommitFiberUnmount: () => undefined,
      onPostCommitFiberRoot: () => undefined,
    },
  });
}

/** Questions to workers wait until they are let go: what a keystroke renders by itself is apart from what follows. */
function holdWorkers(): void {
  const held: (() => void)[] = [];
  let holds = false;
  window.Worker = class extends Worker {
    override postMessage(message: unknown): void {
      const ask = (): void => super.postMessage(message);
      if (holds) held.push(ask);
      else ask();
    }
  };
  Object.assign(window, {
    holdWorkers: (wanted: boolean) => {
      holds = wanted;
      if (!wanted) for (const go of held.splice(0)) go();
    },
  });
}

interface Counting {
  readonly rendered: Record<string, number>;
  readonly holdWorkers: (wanted: boolean) => void;
}

test('a keystroke renders what shows it, and what follows from it what shows that', async ({
  page,
  isomeros,
}) => {
  await page.addInitScript(countRendering);
  await page.addInitScript(holdWorkers);
  const id = await isomeros.createDesign('entity Route\n  code: text, key\n');
  await page.goto(`${isomeros.url}/designs/${id}/model`);
  const hold = (wanted: boolean): Promise<void> =>
    page.evaluate((held) => {
      (window as unknown as Counting).holdWorkers(held);
    }, wanted);
  const taken = (): Promise<readonly string[]> =>
    page.evaluate(() => {
      const { rendered } = window as unknown as Counting;
      const sections = Object.keys(rendered);
      for (const name of sections) delete rendered[name];
      return sections.sort();
    });
  await page.locator('.cm-content').click();
  await page.keyboard.press('Control+End');
  await page.keyboard.type('// ');
  await expect(page.getByText('All changes kept')).toBeVisible();
  await expect(page.getByText('1 entity · 0 relationships')).toBeVisible();
  let save = (): void => undefined;
  const isSaved = new Promise<void>((resolve) => {
    save = resolve;
  });
  await page.route('**/api/designs/*/model', async (route) => {
    await isSaved;
    await route.continue();
  });
  await hold(true);
  await page.keyboard.press('x');
  await expect(page.getByText('Keeping')).toBeVisible();
  await taken();
  await page.keyboard.press('y');
  await expect(page.locator('.cm-content')).toContainText('xy');
  expect(await taken()).toEqual(['Notation']);
  save();
  await expect(page.getByText('All changes kept')).toBeVisible();
  expect(await taken()).toContain('Top line');
  // What follows is the same: what shows it is rendered, the line of stages is not.
  await hold(false);
  await page.keyboard.press('Enter');
  await expect(page.getByText('4 lines')).toBeVisible();
  await expect(page.getByText('All changes kept')).toBeVisible();
  const sections = await taken();
  expect(sections).toContain('What this implies');
  expect(sections).not.toContain('Stages');
});
