/** What answers look like, as the build knew it. */
declare const __SHAPES__: string
