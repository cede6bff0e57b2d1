/** A size of files as people read it. */
export const bytesAsRead = (bytes: number): string => (bytes < 1_000_000 ? `${Math.ceil(bytes / 1000)} kB` : `${(bytes / 1_000_000).toFixed(1)} MB`);
