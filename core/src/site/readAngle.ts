import { say } from '../speech/say';
import { Unfit } from '../working/unfit';

const most = { latitude: 90, longitude: 180 } as const;
const sides = {
  latitude: { N: 1, S: -1 },
  longitude: { E: 1, W: -1 },
} as const satisfies Record<keyof typeof most, Record<string, 1 | -1>>;

/**
 * Degrees of a place as they are written on a map, by a phone or by hand: 52.5, −52,5, 52° 30′ N, 52 30 0 S, W 4°15'.
 * @param axis which of the two it is
 * @returns degrees, north and east above 0
 * @throws Unfit for what cannot be read, minutes or seconds of 60 and more, or more degrees than there are
 */
export function readAngle(text: string, axis: keyof typeof most): number {
  const wrong = (why: string) =>
    new Unfit(`${axis === 'latitude' ? say`Latitude` : say`Longitude`}: ${why}`, axis);
  const [plus, minus] = Object.keys(sides[axis]);
  const unread = () =>
    wrong(say`“${text.trim().slice(0, 30)}” cannot be read. Write degrees, as 52.5 or 52° 30′ ${plus}.`);
  const letters: readonly string[] = text.toUpperCase().match(/[A-Z]/g) ?? [];
  if (letters.length > 1) throw unread();
  const side = letters.length ? (sides[axis] as Record<string, 1 | -1 | undefined>)[letters[0]] : 1;
  if (side === undefined)
    throw wrong(say`it is counted ${plus} or ${minus}, not ${letters[0]}. Are the two changed over?`);
  const bare = text.toUpperCase().replace(/[A-Z]/g, ' ').replace(/−/g, '-').replace(/,/g, '.').trim();
  const parts =
    /^([-+]?)\s*(\d+(?:\.\d+)?)\s*(?:°|º|\s|$)\s*(?:(\d+(?:\.\d+)?)\s*(?:['′’]|\s|$)\s*)?(?:(\d+(?:\.\d+)?)\s*(?:["″”]|''|′′)?)?$/.exec(
      bare,
    );
  if (!parts) throw unread();
  const [, sign, ...given] = parts;
  if (sign === '-' && letters.length) throw wrong(say`write either a minus or a letter, not both.`);
  const [degrees, minutes = 0, seconds = 0] = given.map((part) =>
    part === undefined ? undefined : Number(part),
  );
  if (minutes >= 60 || seconds >= 60) throw wrong(say`minutes and seconds go up to 59.`);
  const isWhole = (value: string | undefined, next: string | undefined) =>
    next === undefined || value === undefined || !value.includes('.');
  if (!isWhole(given[0], given[1]) || !isWhole(given[1], given[2])) throw unread();
  const angle = (degrees! + minutes / 60 + seconds / 3600) * (sign === '-' ? -1 : 1) * side;
  if (Math.abs(angle) > most[axis]) throw wrong(say`there are ${most[axis]}° either way, not ${degrees}.`);
  return angle;
}
