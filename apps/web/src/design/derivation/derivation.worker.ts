import { serve } from '../../app/workers/serve.js';
import { Derivations } from './derivations.js';

serve(new Derivations().answerer);
