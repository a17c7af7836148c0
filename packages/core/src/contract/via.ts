export interface Via {
  readonly relationship: string;
  /**
   * `owned`: records under their owner. `referrers`: records that point at the record above; `referred`: what
   * the record above points at. `paired`: what the record above pairs with; `paired-back`: what pairs with the
   * record above.
   */
  readonly direction: 'owned' | 'referrers' | 'referred' | 'paired' | 'paired-back';
}
