<script setup lang="ts">
import { lotsOf, type HeldWrite, say } from '@kauri/core';
import type { LotRow } from '@kauri/core/contract';
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';
import { sentenceOf } from '../api/problem';
import type { KeptAct } from '../device/device';
import FormDialog from '../parts/FormDialog.vue';
import { useDevice } from '../stores/device';
import { useMessages } from '../stores/messages';
import { useNursery } from '../stores/nursery';
import { useSession } from '../stores/session';
import { several } from '../words/numbers';
import { instantWords } from '../words/people';

/** What was done here and is not with the server: what waits, and what was not taken, to mend or to drop. */
const props = defineProps<{ leaving?: 'here' | 'everywhere' | null }>();
const emit = defineEmits<{ close: [] }>();
const device = useDevice();
const messages = useMessages();
const nursery = useNursery();
const session = useSession();
const router = useRouter();
const leaveFault = ref<string | null>(null);

const network = computed(() => {
  if (device.seenAt !== null)
    return say`The network is slow: what you see is as it was on ${instantWords(device.seenAt)}, until the server has answered.`;
  if (device.reachable) return say`The server answers.`;
  const last = device.contact?.deviceMs;
  return say`No network${last ? say` since ${instantWords(last)}` : ''}: what you see is what was seen last, with what you did since.`;
});
/** Which lots an act is about, where its words do not say, and when it was done; of another nursery, which one. */
const about = (act: KeptAct): string => [whatOf(act), instantWords(act.at)].filter(Boolean).join(' · ');
function whatOf({ write, nurseryId, words }: KeptAct): string {
  if (nurseryId !== nursery.nurseryId)
    return (
      session.me!.memberships.find((m) => m.nurseryId === nurseryId)?.nurseryName ?? say`another nursery`
    );
  const codes = lotsOf(write)
    .map((id) => nursery.index.get(id)?.code ?? say`a lot`)
    .filter((code) => !words.includes(code));
  return codes.length > 3
    ? say`${codes.slice(0, 3).join(', ')} and ${codes.length - 3} more`
    : codes.join(', ');
}
const movedTo = ({ fault }: KeptAct): LotRow | null =>
  fault?.type === '/problems/moved-meanwhile' ? (fault.current as LotRow) : null;

/** Meant for the lot as it stands now. */
function keepAsItStands(act: KeptAct): void {
  const now = movedTo(act)!;
  const write = JSON.parse(JSON.stringify(act.write)) as HeldWrite;
  const body = write.body as { seen?: string; lots?: { lotId: string; seen?: string }[] };
  if (body.lots) for (const lot of body.lots) if (lot.lotId === now.id) lot.seen = now.stage.id;
  if (!body.lots) body.seen = now.stage.id;
  void device.retry(act.seq!, write);
}
/** What was typed goes back where it was typed, to be mended there. */
async function putBack(act: KeptAct): Promise<void> {
  sessionStorage.setItem(act.form!.key, JSON.stringify(act.form!.draft));
  await device.drop(act.seq!);
  emit('close');
  await router.push({ name: 'grow', params: { lot: lotsOf(act.write)[0] } });
}
async function drop(act: KeptAct): Promise<void> {
  await device.drop(act.seq!);
  messages.say(say`Dropped: ${act.words}`, () => device.restore(act));
}
async function takeBack(act: KeptAct): Promise<void> {
  if (!(await device.takeBack(act.id))) return;
  messages.say(say`Not sent: ${act.words}`, () => device.restore(act));
}
async function leave(): Promise<void> {
  try {
    await session.signOut(props.leaving === 'everywhere');
  } catch (error) {
    leaveFault.value = sentenceOf(error);
  }
}
</script>

<template>
  <FormDialog :title="say`Kept on this device`" :subtitle="network" @close="emit('close')">
    <section v-if="device.refused.length" aria-labelledby="not-taken" data-testid="refused">
      <h3 id="not-taken" class="mb-1 font-bold">{{ say`Not taken` }}</h3>
      <p class="text-muted mb-2 text-sm">
        {{ say`These were refused. Nothing of them is in any list; the others went on.` }}
      </p>
      <ul class="divide-rule divide-y">
        <li v-for="act in device.refused" :key="act.id" class="py-2">
          <p>
            <span class="font-bold">{{ act.words }}</span> <span class="text-muted">{{ about(act) }}</span>
          </p>
          <p class="text-wrong font-bold">{{ act.fault?.detail }}</p>
          <div class="mt-2 flex flex-wrap gap-2">
            <button v-if="movedTo(act)" class="act-main" type="button" @click="keepAsItStands(act)">
              {{ say`Keep it as ${movedTo(act)!.code} stands now` }}
            </button>
            <button
              v-if="act.form"
              :class="movedTo(act) ? 'act' : 'act-main'"
              type="button"
              @click="putBack(act)"
            >
              {{ say`Back to its sheet` }}
            </button>
            <button class="act" type="button" @click="device.retry(act.seq!)">
              {{ say`Send it again` }}
            </button>
            <button class="act" type="button" @click="drop(act)">{{ say`Drop it` }}</button>
          </div>
        </li>
      </ul>
    </section>
    <section v-if="device.waiting.length" class="mt-3" aria-labelledby="to-send" data-testid="waiting">
      <h3 id="to-send" class="mb-1 font-bold">{{ say`To send` }}</h3>
      <p class="text-muted mb-2 text-sm">
        {{
          say`In this order, each once. They are in your lists and forecasts already; others see them when they are sent.`
        }}
      </p>
      <ul class="divide-rule max-h-[45vh] divide-y overflow-y-auto" tabindex="0" aria-labelledby="to-send">
        <li
          v-for="act in device.waiting"
          :key="act.id"
          class="flex items-center justify-between gap-3 py-1.5"
        >
          <p class="min-w-0">
            <span class="font-bold">{{ act.words }}</span> <span class="text-muted">{{ about(act) }}</span>
          </p>
          <button class="quiet shrink-0" type="button" @click="takeBack(act)">{{ say`Take back` }}</button>
        </li>
      </ul>
    </section>
    <p v-if="!device.acts.length">{{ say`Everything you did is with the server.` }}</p>
    <div class="mt-4 flex flex-wrap items-center gap-3">
      <template v-if="leaving">
        <p class="w-full">
          {{
            say`${several(device.acts.length, 'act')} of yours ${device.acts.length === 1 ? say`waits` : say`wait`} here. Signed out, they stay on this device, shown to nobody else, until ${session.me!.person.name} signs in again.`
          }}
        </p>
        <p v-if="leaveFault" class="text-wrong w-full font-bold" role="alert">{{ leaveFault }}</p>
        <button class="act-main" type="button" @click="emit('close')">{{ say`Stay signed in` }}</button>
        <button class="act" type="button" @click="leave">{{ say`Sign out all the same` }}</button>
      </template>
      <button
        v-else-if="!device.reachable || device.waiting.length"
        class="act-main"
        type="button"
        @click="device.tryNow"
      >
        {{ say`Try now` }}
      </button>
    </div>
  </FormDialog>
</template>
