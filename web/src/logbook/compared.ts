/** No more batches than so many fit beside each other. */
export const MOST_COMPARED = 4
