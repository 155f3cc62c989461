/** What the command line ends with: all done, the work failed, the call or an input is wrong. */
export const DONE = 0;
export const FAILED = 1;
export const WRONG_CALL = 2;
