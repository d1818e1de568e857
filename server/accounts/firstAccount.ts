/**
 * The account that every data folder has from the beginning. What was recorded before there were accounts belongs to
 * it; the first device that comes is its guest; in the demo everybody is who comes without an account of their own.
 */
export const FIRST_ACCOUNT = '00000000-0000-4000-8000-000000000001';
