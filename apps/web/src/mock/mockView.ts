/** What stands below the line of a mock. */
export type MockView = 'exchanges' | 'records' | 'load' | 'migration';
