/**
 * What a thread that simulates may use. Its figures live for moments and come by the million: swept
 * rarely, they cost half as long, and leave the other cores to who waits for an answer.
 */
export const ROOM_TO_WORK = { maxYoungGenerationSizeMb: 192 };
