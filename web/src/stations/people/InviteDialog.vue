<script setup lang="ts">
import { say } from '@kauri/core';
import { roles, type Role } from '@kauri/core/contract/roles';
import { ref } from 'vue';
import FormDialog from '../../parts/FormDialog.vue';
import FormField from '../../parts/FormField.vue';
import SelectField from '../../parts/SelectField.vue';
import SheetActs from '../../parts/SheetActs.vue';
import { useDraft } from '../../parts/useDraft';
import { useSaving } from '../../parts/useSaving';
import { useCrew } from '../../stores/crew';
import { roleMay, roleWords } from '../../words/people';
import GiveLink from './GiveLink.vue';

/** Somebody is invited: who, as what, and the link to give them. */
const emit = defineEmits<{ close: [] }>();
const crew = useCrew();
const { draft, clear } = useDraft('invite', { name: '', role: 'crew' as Role });
const { busy, save, sentence, wrong } = useSaving('invite');
const link = ref<string | null>(null);
const options = roles.map((value) => ({ value, words: `${roleWords[value]}: ${roleMay[value]}` }));

async function invite() {
  const { name, role } = draft.value;
  const made = await save({ name, role }, (id) => crew.invite(id, name, role));
  if (made === null) return;
  link.value = made;
  clear();
}
</script>

<template>
  <FormDialog
    :title="say`Invite somebody`"
    :subtitle="say`You give them the link yourself: Kauri sends nothing.`"
    @close="emit('close')"
  >
    <GiveLink v-if="link" :link="link" :label="say`The invitation`">
      <p>
        {{
          say`Whoever opens it first may join, so give it to nobody else. It holds for seven days and is shown this once; withdraw it and make another if it is lost.`
        }}
      </p>
    </GiveLink>
    <form v-else class="space-y-3" novalidate @submit.prevent="invite">
      <FormField
        v-model="draft.name"
        :label="say`Who`"
        :hint="say`They can write it as they like`"
        :fault="wrong('name')"
      />
      <SelectField v-model="draft.role" :label="say`As`" :options="options" />
      <p v-if="draft.role === 'owner'" class="border-root border-l-4 pl-3">
        {{ say`An owner can take everybody out, you too.` }}
      </p>
      <SheetActs :act="say`Make the link`" :busy="busy" :sentence="sentence()" @save="invite" />
    </form>
  </FormDialog>
</template>
