/** A password in normal form (NFKC): typed on another keyboard, composed otherwise or in full width, it is the same. */
export const normalPassword = (typed: string): string => typed.normalize('NFKC');
