/** English → a file it is said in, and whether it is a noun that is counted. */
export function wordsInCode(): Map<string, { where: string; noun: boolean; many?: string }>;
