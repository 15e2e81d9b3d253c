import { say } from '@kauri/core';
import type { StartingSpecies } from '@kauri/core';
import type { BodyInputOf, Species } from '@kauri/core/contract';
import { v7 as newId } from 'uuid';
import { ref } from 'vue';
import { call } from '../../../api/client';
import { sentenceOf } from '../../../api/problem';
import { useMessages } from '../../../stores/messages';
import { useNursery } from '../../../stores/nursery';
import { several } from '../../../words/numbers';

/** The nursery's own species: taken in from the library or a file, and changed. */
export function useSpeciesList() {
  const nursery = useNursery();
  const messages = useMessages();
  const busy = ref(false);
  const fault = ref<string | null>(null);

  const put = (rows: readonly Species[]) => {
    const ids = new Set(rows.map((row) => row.id));
    const species = [...nursery.catalogue!.species.filter((s) => !ids.has(s.id)), ...rows].sort((a, b) =>
      a.common.localeCompare(b.common),
    );
    nursery.takeCatalogue({ species });
  };
  async function run(work: () => Promise<void>): Promise<boolean> {
    if (busy.value) return false;
    busy.value = true;
    fault.value = null;
    try {
      await work();
      return true;
    } catch (error) {
      fault.value = sentenceOf(error);
      return false;
    } finally {
      busy.value = false;
    }
  }
  const add = (rows: readonly StartingSpecies[]) =>
    run(async () => {
      const species = rows.map(({ code, common, latin, values }) => ({
        id: newId(),
        code,
        common,
        latin,
        values,
      })) as BodyInputOf<'addSpecies'>['species'];
      const answer = await call('addSpecies', { params: nursery.params, body: { id: newId(), species } });
      put(answer.species);
      messages.say(
        say`${rows.length === 1 ? rows[0].common : several(rows.length, 'species', 'species')} taken in.`,
      );
    });
  const change = (row: Species, values: Species['values']) =>
    run(async () => {
      const { id, version, code, common, latin } = row;
      const answer = await call('editSpecies', {
        params: { ...nursery.params, species: id },
        body: { version, code, common, latin, values },
      });
      put([answer]);
      messages.say(say`${common} kept.`);
    });
  return { add, change, busy, fault };
}
