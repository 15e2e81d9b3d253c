<script setup lang="ts">
import { say } from '@kauri/core';
import type { Crew } from '@kauri/core/contract';
import { roles, type Role } from '@kauri/core/contract/roles';
import { computed, onMounted, ref } from 'vue';
import { sentenceOf } from '../../api/problem';
import FormDialog from '../../parts/FormDialog.vue';
import SelectField from '../../parts/SelectField.vue';
import { languages } from '../../language';
import { useCrew } from '../../stores/crew';
import { useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';
import { useOthers } from '../../stores/others';
import { useSession } from '../../stores/session';
import { instantWords, roleMay, roleWords } from '../../words/people';
import GiveLink from './GiveLink.vue';
import InviteDialog from './InviteDialog.vue';

/** Everybody of the nursery: who they are, what they may do, and who is invited. */
type Person = Crew['people'][number];
const kept = useCrew();
const messages = useMessages();
const nursery = useNursery();
const session = useSession();
const fault = ref<string | null>(null);
const inviting = ref(false);
const leaving = ref<Person | null>(null);
const link = ref<{ to: string; person: Person } | null>(null);
const people = computed(() => kept.crew?.people ?? []);
const isMe = (person: Person) => person.id === session.me!.person.id;

async function tried(work: () => Promise<void>) {
  try {
    await work();
    fault.value = null;
  } catch (error) {
    fault.value = sentenceOf(error);
  }
}
onMounted(() => tried(kept.load));
useOthers().follow(['people'], kept.load);

const changeRole = (person: Person, role: Role) =>
  tried(async () => {
    const was = person.role;
    await kept.changeRole(person.id, was, role);
    messages.say(say`${person.name} is ${roleWords[role]} now.`, () => kept.changeRole(person.id, role, was));
  });
const language = ref(session.membership!.language);
const speak = (to: string) =>
  tried(async () => {
    await kept.speak(to);
    language.value = to;
    messages.say(say`The nursery speaks ${languages.find((l) => l.value === to)!.words} now.`);
  });
const remove = (person: Person) =>
  tried(async () => {
    await kept.remove(person.id);
    leaving.value = null;
    messages.say(say`${person.name} is out. What they wrote stays.`);
  });
const makeLink = (person: Person) =>
  tried(async () => {
    link.value = { to: await kept.passwordLink(person.id), person };
  });
</script>

<template>
  <div class="mx-auto max-w-4xl space-y-5 p-4 md:p-6">
    <div class="flex flex-wrap items-end gap-3">
      <h1 class="mr-auto text-2xl">{{ say`People of ${nursery.catalogue!.nursery.name}` }}</h1>
      <button v-if="session.may('owner')" class="act-main" type="button" @click="inviting = true">
        {{ say`Invite somebody` }}
      </button>
    </div>
    <p v-if="!session.may('owner')">
      {{
        say`This is the owner’s page; your role is ${roleWords[session.membership!.role]}. Who works here is named where they write.`
      }}
    </p>
    <p v-if="fault && session.may('owner')" class="text-wrong font-bold" role="alert">{{ fault }}</p>
    <p v-else-if="!kept.crew && session.may('owner')" class="text-muted" role="status">
      {{ say`Looking everybody up …` }}
    </p>
    <ul v-if="kept.crew" class="space-y-2" data-testid="people">
      <li
        v-for="person in people"
        :key="person.id"
        class="panel hand:grid-cols-1 grid grid-cols-[minmax(0,1fr)_15rem_16rem] items-center gap-x-4 gap-y-2 p-3"
      >
        <div class="min-w-0">
          <p class="font-bold">
            {{ person.name }} <span v-if="isMe(person)" class="text-muted font-normal">{{ say`(you)` }}</span>
          </p>
          <p class="text-muted truncate text-sm">{{ person.email }}</p>
          <p class="text-muted text-sm">
            {{ person.seenAt ? say`Last here ${instantWords(person.seenAt)}` : say`Not signed in anywhere`
            }}{{ person.secondFactor ? say` · second factor` : '' }}
          </p>
        </div>
        <SelectField
          label-hidden
          :model-value="person.role"
          :label="say`Role of ${person.name}`"
          :options="roles.map((role) => ({ value: role, words: roleWords[role] }))"
          :hint="roleMay[person.role]"
          @update:model-value="(role: Role) => changeRole(person, role)"
        />
        <div class="flex flex-wrap gap-2">
          <button v-if="!isMe(person)" class="act" type="button" @click="makeLink(person)">
            {{ say`New password` }}<span class="sr-only"> {{ say` for ${person.name}` }}</span>
          </button>
          <button class="act" type="button" @click="leaving = person">
            {{ say`Take out` }}<span class="sr-only"> {{ person.name }}</span>
          </button>
        </div>
      </li>
    </ul>
    <SelectField
      v-if="session.may('owner')"
      class="max-w-sm"
      :model-value="language"
      :label="say`Language of the nursery`"
      :options="languages"
      :hint="
        say`For who has chosen none on their device, and for the calendar. Each chooses their own in the menu at the top.`
      "
      @update:model-value="speak"
    />
    <section v-if="kept.crew?.invites.length" aria-labelledby="invited">
      <h2 id="invited" class="mb-2 text-xl">{{ say`Invited` }}</h2>
      <ul class="space-y-2" data-testid="invites">
        <li v-for="i in kept.crew.invites" :key="i.id" class="panel flex flex-wrap items-center gap-3 p-3">
          <p class="mr-auto">
            <strong>{{ i.name }}</strong>{{ say`, as ${roleWords[i.role]}` }}
            <span class="text-muted">{{ say`· by ${i.by}, until ${instantWords(i.endsAt)}` }}</span>
          </p>
          <button class="act" type="button" @click="tried(() => kept.withdraw(i.id))">
            {{ say`Withdraw` }}<span class="sr-only"> {{ say` the invitation of ${i.name}` }}</span>
          </button>
        </li>
      </ul>
    </section>
    <InviteDialog v-if="inviting" @close="inviting = false" />
    <FormDialog
      v-if="link"
      :title="say`A new password for ${link.person.name}`"
      :subtitle="say`Be sure it is they who ask: whoever opens the link is in.`"
      @close="link = null"
    >
      <GiveLink :link="link.to" :label="say`The link`">
        <p>
          {{
            say`It works once, for a day. It signs them out everywhere and ends their second factor. Shown this once; a new link ends this one.`
          }}
        </p>
      </GiveLink>
    </FormDialog>
    <FormDialog
      v-if="leaving"
      :title="isMe(leaving) ? say`Leave this nursery` : say`Take ${leaving.name} out`"
      :subtitle="say`What was written stays, under its name. To come back takes an invitation.`"
      @close="leaving = null"
    >
      <p v-if="fault" class="text-wrong mb-3 font-bold" role="alert">{{ fault }}</p>
      <button class="act-main" type="button" @click="remove(leaving)">
        {{ isMe(leaving) ? say`Leave` : say`Take out` }}
      </button>
    </FormDialog>
  </div>
</template>
