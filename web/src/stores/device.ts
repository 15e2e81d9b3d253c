import { say } from '@kauri/core';
import type { HeldRoute, HeldWrite } from '@kauri/core';
import type { BodyInputOf, ParamsOf, RouteName } from '@kauri/core/contract';
import type { Subscription } from 'dexie';
import { defineStore } from 'pinia';
import { computed, ref, shallowReactive, shallowRef } from 'vue';
import { call, onContact, putPhoto, rememberIn } from '../api/client';
import { onLastSeen } from '../api/opening';
import { OfflineError } from '../api/problem';
import type { Device, KeptAct } from '../device/device';
import { KEPT, type Outcome } from '../device/keptAnswer';
import type { Memory } from '../device/memory';
import type { Answered, outbox } from '../device/outbox';

/** How long one act, and one photo, may take to be answered before nobody answered, ms. */
const ACT_WITHIN_MS = 15_000;
const PHOTO_WITHIN_MS = 60_000;
/** How long a sheet waits for its act; then it is told that the act is kept, ms. */
const PATIENCE_MS = 12_000;
/** A server that did not answer is tried again after so long, then half as long again each time, ms. */
const FIRST_TRY_MS = 3_000;
const LAST_TRY_MS = 45_000;

/** What other stores do about acts of this device: they know what is shown. */
interface Followers {
  /** Takes in what the server answered, in the order it did. */
  taken: (answered: readonly Answered[]) => void;
  /** @throws Unfit where a write cannot be, by what is known here */
  check?: (write: HeldWrite) => void;
  /** The server answers again; something may have changed meanwhile. */
  back: () => Promise<void>;
}

/** This person’s device: what they did and is not sent yet, what they last saw, and whether there is a network. */
export const useDevice = defineStore('device', () => {
  /** Acts that the server does not have yet, of all nurseries of this person. */
  const acts = shallowRef<readonly KeptAct[]>([]);
  const memory = shallowRef<Memory | null>(null);
  const reachable = ref(true);
  /** When the server last answered: its clock and this device’s, ms. */
  const contact = shallowRef<{ serverMs: number; deviceMs: number } | null>(null);
  /** Of what is shown as it was last seen, while the server is still asked: how much, and since when by this device, ms. */
  const unsure = ref({ answers: 0, since: Infinity });
  /** What the server then answered otherwise, until it is taken in. */
  const changed = shallowRef<readonly RouteName[]>([]);
  const followers: Followers[] = [];
  let box: ReturnType<typeof outbox> | null = null;
  let device: Device | null = null;
  let watching: Subscription | null = null;
  let closing = new AbortController();
  let openFor: string | null = null;
  let opening: Promise<void> = Promise.resolve();

  /** Acts whose sheet still waits for the answer: neither listed nor shown until it is there, or they are kept. */
  const asking = shallowReactive(new Set<string>());
  const waiting = computed(() =>
    acts.value.filter(({ id, state }) => state === 'waiting' && !asking.has(id)),
  );
  const refused = computed(() => acts.value.filter(({ state }) => state === 'refused'));

  /** Acts that left the device by way of this tab. */
  const goneHere = new Set<string>();
  const taken: Followers['taken'] = (answered) => followers.forEach((one) => one.taken(answered));
  const toldBack = () => void Promise.all(followers.map((one) => one.back().catch(() => undefined)));

  async function transmit({ write, photo }: KeptAct): Promise<unknown> {
    const { signal } = closing;
    try {
      if (write.route === 'keepPhoto')
        return await putPhoto(write.params, photo!, { signal, withinMs: PHOTO_WITHIN_MS });
      const { params, body } = write;
      return await call(write.route, { params, body, signal, withinMs: ACT_WITHIN_MS } as never);
    } catch (error) {
      // Somebody else sits here now: it waits for whoever did it.
      if (signal.aborted) throw new OfflineError();
      throw error;
    }
  }

  /** Opens what the device keeps of a person; of whoever was here before, it is closed. Nothing waits for it but what needs it. */
  function open(personId: string): Promise<void> {
    if (openFor === personId) return opening;
    close();
    openFor = personId;
    closing = new AbortController();
    // A browser that keeps nothing: Kauri works as long as there is a network.
    opening = openFully(personId, closing.signal).catch(() => undefined);
    rememberIn(opening.then(() => memory.value));
    return opening;
  }
  async function openFully(personId: string, signal: AbortSignal): Promise<void> {
    const { Device, liveQuery, memoryOf, outbox } = await import('../device/keeping');
    const mine = new Device(personId);
    await mine.tidy(__BUILD__, Date.now());
    if (signal.aborted) return mine.close();
    device = mine;
    memory.value = memoryOf(mine);
    box = outbox({
      device: mine,
      transmit,
      taken: (answered) => {
        for (const { act } of answered) goneHere.add(act.id);
        taken(answered);
      },
      check: (write) => followers.forEach((one) => one.check?.(write)),
      // Where a browser has no locks, two tabs may send the same act: it is taken once.
      alone: (work) => (navigator.locks ? navigator.locks.request(`kauri.outbox.${personId}`, work) : work()),
      now: Date.now,
      patienceMs: PATIENCE_MS,
    });
    acts.value = await mine.acts.orderBy('seq').toArray();
    watching = liveQuery(() => mine.acts.orderBy('seq').toArray()).subscribe((now) => {
      const left = new Set(now.map(({ id }) => id));
      const gone = acts.value.filter(({ id }) => !left.has(id));
      acts.value = now;
      for (const { id } of gone) asking.delete(id);
      // Another tab sent them: what the server answered is not here yet.
      if (gone.filter(({ id }) => !goneHere.delete(id)).length) toldBack();
    });
    if (waiting.value.length) void flush();
  }

  function close(): void {
    closing.abort();
    watching?.unsubscribe();
    device?.close();
    [watching, device, box, openFor] = [null, null, null, null];
    memory.value = null;
    acts.value = [];
    rememberIn(null);
  }

  /** Lets go of what was seen, for whoever sits down next; what was not sent waits for its person. */
  async function forget(): Promise<void> {
    await device?.forget().catch(() => undefined);
    close();
  }

  async function flush(): Promise<void> {
    await box?.flush().catch(() => undefined);
    const left = await device?.acts
      .filter(({ state }) => state === 'waiting')
      .count()
      .catch(() => 0);
    if (left) tryAgain();
  }

  let trying: ReturnType<typeof setTimeout> | null = null;
  let pauseMs = FIRST_TRY_MS;
  function tryAgain(): void {
    if (trying !== null) return;
    trying = setTimeout(() => {
      trying = null;
      void (reachable.value ? flush() : call('me').catch(() => undefined));
    }, pauseMs);
    pauseMs = Math.min(LAST_TRY_MS, pauseMs * 1.5);
  }
  /** Looks at once whether the server answers again. */
  function tryNow(): void {
    pauseMs = FIRST_TRY_MS;
    if (!reachable.value) void call('me').catch(() => undefined);
    else if (waiting.value.length) void flush();
  }

  onContact((answered, serverMs) => {
    if (!answered) {
      reachable.value = false;
      tryAgain();
      return;
    }
    if (serverMs !== null) contact.value = { serverMs, deviceMs: Date.now() };
    pauseMs = FIRST_TRY_MS;
    if (reachable.value) return;
    reachable.value = true;
    void flush().then(toldBack);
  });

  onLastSeen({
    shown(at) {
      const { answers, since } = unsure.value;
      unsure.value = { answers: answers + 1, since: Math.min(since, at) };
    },
    over(name, isChanged) {
      const answers = unsure.value.answers - 1;
      if (isChanged) changed.value = [...changed.value, name];
      unsure.value = answers ? { ...unsure.value, answers } : { answers: 0, since: Infinity };
    },
  });

  let asked = false;
  /** What is kept here is not let go of when the device runs short, where the browser grants it. */
  function askToStay(): void {
    if (asked) return;
    asked = true;
    void navigator.storage?.persist?.().catch(() => false);
  }

  /**
   * Keeps a write on the device and sends it.
   * @param id of the write
   * @param words what was done, as it is listed while it waits
   * @param form the sheet it was typed in, to go back to where it is refused later
   * @returns once the server’s answer is in every list, or the act is kept until there is a network
   * @throws ProblemError or Unfit with a sentence where it cannot be; nothing is kept then
   */
  async function write<N extends Exclude<HeldRoute, 'keepPhoto'>>(
    route: N,
    params: ParamsOf<N> & { nursery: string },
    body: BodyInputOf<N> & { id: string },
    words: string,
    form: KeptAct['form'] = null,
  ): Promise<Outcome> {
    await opening;
    // Drafts are seen through by the framework; what is kept is plain.
    const plain = JSON.parse(JSON.stringify({ write: { route, params, body }, form })) as Pick<
      KeptAct,
      'write' | 'form'
    >;
    const act = { id: body.id, nurseryId: params.nursery, words, photo: null, ...plain };
    if (!box) {
      taken([{ act, answer: await call(route, { params, body } as never) }]);
      return 'taken';
    }
    askToStay();
    asking.add(act.id);
    let answer: unknown = KEPT;
    try {
      answer = await box.write(act);
    } finally {
      // Answered, it is let go of in a moment and needs no listing.
      if (answer === KEPT) asking.delete(act.id);
    }
    return answer === KEPT ? KEPT : 'taken';
  }

  /** Keeps a photo on the device and sends it; those that follow and name it are sent after it. */
  async function writePhoto(params: ParamsOf<'keepPhoto'>, photo: Blob): Promise<void> {
    await opening;
    if (!box) return void (await putPhoto(params, photo));
    askToStay();
    const write: HeldWrite = { route: 'keepPhoto', params: { ...params }, body: null };
    const { photo: id, nursery: nurseryId } = params;
    await box.write({ id, nurseryId, write, words: say`A photo`, photo, form: null });
  }

  return {
    acts,
    waiting,
    refused,
    reachable,
    /** When the oldest of what is shown was last seen, ms; null where all of it is as the server says. */
    seenAt: computed(() => (unsure.value.answers ? unsure.value.since : null)),
    /** Whether all that is shown is as the server says, as far as it can be asked. */
    isSure: computed(() => reachable.value && unsure.value.answers === 0 && changed.value.length === 0),
    /** What the server answered otherwise than was shown, once it answered all: to be taken in. */
    changed: computed(() => (unsure.value.answers ? [] : changed.value)),
    takenIn: () => void (changed.value = []),
    contact,
    /** What the device remembers, once it is open; null where it keeps nothing. */
    remembered: () => opening.then(() => memory.value),
    open,
    close,
    forget,
    flush,
    tryNow,
    write,
    writePhoto,
    follow: (one: Followers) => void followers.push(one),
    takeBack: async (id: string) => {
      goneHere.add(id);
      return (await box?.takeBack(id)) ?? false;
    },
    retry: (seq: number, mended?: HeldWrite) => box?.retry(seq, mended) ?? Promise.resolve(),
    drop: async (seq: number) => void (await device?.acts.delete(seq)),
    /** Keeps a dropped act again, the last of those that wait. */
    async restore({ seq: _, ...act }: KeptAct): Promise<void> {
      await device?.acts.add({ ...act, state: 'waiting', fault: null });
      void flush();
    },
  };
});
