/** Names the build of Kauri: another one may see another shape in what a device remembers. */
declare const __BUILD__: string;
