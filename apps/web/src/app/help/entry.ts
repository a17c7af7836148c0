/** What a column, an action or a mark means, for whoever asks. */
export interface HelpEntry {
  /** As it is called on the page. */
  readonly title: string;
  readonly kind: 'action' | 'column' | 'mark';
  /** The last part of the address of the view it is in; the empty text is the list of designs. */
  readonly view: 'model' | 'arrange' | 'contract' | 'mock' | 'revisions' | '';
  /** One sentence. */
  readonly help: string;
  readonly example?: string;
  /** The section of the standard it follows. */
  readonly standard?: string;
}
