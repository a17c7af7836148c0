import { parse } from '@isomeros/core/notation';
import { previewSeed } from '@isomeros/core/records';
import { serve } from '../app/workers/serve.js';
import type { SeedPreviewProtocol } from './useSeedPreview.js';

serve<SeedPreviewProtocol>({
  preview: ({ text, identities, options }) => previewSeed(parse(text, identities).model, options),
});
