/** A size of files as people read it. */
export const megabytes = (bytes: number): string => `${(bytes / 1_000_000).toFixed(1)} MB`;
