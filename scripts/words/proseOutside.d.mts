/** Words a page would show that no catalogue can reach, each as "file: words". */
export function proseOutside(reached: { has: (english: string) => boolean }): string[];
