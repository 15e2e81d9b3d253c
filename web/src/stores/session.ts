import type { BodyInputOf, Door, Me } from '@kauri/core/contract';
import { mayAct, type Role } from '@kauri/core/contract/roles';
import { until } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import { call, onSignedOut, signOutBy } from '../api/client';
import { orLastSeen } from '../api/opening';
import { OfflineError } from '../api/problem';
import { forgetTyped } from '../device/leftDrafts';
import { beginSpeaking } from '../language';
import { useDevice } from './device';

const LAST_NURSERY = 'kauri.nursery';
/** The nursery somebody went to practise from. */
const LEFT_NURSERY = 'kauri.left';
/** Who was signed in here last, for when nobody can be asked. */
const LAST_PERSON = 'kauri.me';

/** Who is signed in, and in which nursery they are working. */
export const useSession = defineStore('session', () => {
  const device = useDevice();
  const me = ref<Me | null>(null);
  const door = ref<Door | null>(null);
  const nurseryId = ref<string | null>(null);
  /** Set while the sign-in dialog stands over a screen whose session has ended. */
  const signingInAgain = ref<{ done: () => void } | null>(null);

  const membership = computed(
    () => me.value?.memberships.find((m) => m.nurseryId === nurseryId.value) ?? null,
  );
  /** Nurseries that are no practice. */
  const real = computed(() => me.value?.memberships.filter((m) => !m.practice) ?? []);
  const may = (needed: Role) => membership.value !== null && mayAct(membership.value.role, needed);

  const lastHere = (): Me | null => JSON.parse(localStorage.getItem(LAST_PERSON) ?? 'null');
  const noteHere = (answer: Me) => localStorage.setItem(LAST_PERSON, JSON.stringify(answer));

  /** @param isAsked whether the server answered it: until it does, all there is to show is what the device remembers */
  async function take(answer: Me, isAsked = device.reachable) {
    const opened = device.open(answer.person.id);
    if (!isAsked) await opened;
    noteHere(answer);
    const last = localStorage.getItem(LAST_NURSERY);
    const known = answer.memberships.find((m) => m.nurseryId === last) ?? answer.memberships[0];
    await beginSpeaking(known?.language);
    me.value = answer;
    nurseryId.value = known?.nurseryId ?? null;
  }

  /** Asks the server who is signed in; loads what the sign-in page needs if nobody is. */
  async function open() {
    const last = lastHere();
    const answered = call('me');
    const known = await orLastSeen('me', answered, last && { value: last, at: Date.now() }).catch(
      (error: unknown) => {
        if (!(error instanceof OfflineError) || last === null) throw error;
        return last;
      },
    );
    if (known) {
      if (known === last) void answered.then(correct, () => undefined);
      return take(known, known !== last && device.reachable);
    }
    localStorage.removeItem(LAST_PERSON);
    door.value = await call('door');
  }

  /** Opened as whoever was here last; the server says who it is. What is not theirs to see any more is let go of. */
  function correct(answer: Me | null): void {
    const isTheirs =
      answer?.person.id === lastHere()?.person.id &&
      (nurseryId.value === null || answer!.memberships.some((m) => m.nurseryId === nurseryId.value));
    if (answer) noteHere(answer);
    else localStorage.removeItem(LAST_PERSON);
    if (isTheirs) me.value = answer;
    else location.reload();
  }

  /** Whether somebody was signed in here last, and may be still. */
  const wasHere = () => localStorage.getItem(LAST_PERSON) !== null;
  /** Settles once somebody is signed in. */
  const somebody = () => until(me).not.toBeNull();

  async function signIn(body: BodyInputOf<'signIn'>) {
    const before = me.value?.person.id;
    const answer = await call('signIn', { body });
    // Somebody else: what the one before was doing is not done in their name, nor shown to them.
    if (before !== undefined && before !== answer.person.id) {
      location.assign('/');
      return;
    }
    await take(answer);
    signingInAgain.value?.done();
    signingInAgain.value = null;
  }

  async function signOut(everywhere: boolean) {
    await signOutBy(() => call(everywhere ? 'signOutEverywhere' : 'signOut', { body: {} }));
    // What was half typed, and what was seen, is not left for whoever sits down next.
    forgetTyped();
    localStorage.removeItem(LAST_PERSON);
    await device.forget();
    location.assign('/');
  }

  function chooseNursery(id: string) {
    if (membership.value && !membership.value.practice)
      localStorage.setItem(LEFT_NURSERY, membership.value.nurseryId);
    localStorage.setItem(LAST_NURSERY, id);
    location.assign('/');
  }

  /** Back to work: to the nursery somebody came from, or the first they have. */
  function leavePractice() {
    const from = localStorage.getItem(LEFT_NURSERY);
    const back = real.value.find((m) => m.nurseryId === from) ?? real.value[0];
    if (back) chooseNursery(back.nurseryId);
  }

  onSignedOut(
    () =>
      new Promise<void>((resolve) => {
        const before = signingInAgain.value;
        signingInAgain.value = {
          done: () => {
            before?.done();
            resolve();
          },
        };
      }),
  );

  return {
    me,
    door,
    nurseryId,
    membership,
    real,
    may,
    take,
    open,
    wasHere,
    somebody,
    signIn,
    signOut,
    chooseNursery,
    leavePractice,
    signingInAgain,
  };
});
