import { say } from '@kauri/core';
import type { ImportReport, QueryInputOf } from '@kauri/core/contract';
import { reactive, ref, shallowRef } from 'vue';
import { importTable } from '../../api/client';
import { sentenceOf } from '../../api/problem';
import { useNursery } from '../../stores/nursery';
import { readHead, type TableHead } from './tablePreview';

/** A table on its way in: chosen, looked at, checked line by line, and only then taken. */
export function useImport<N extends 'importWeather' | 'importMeasurements'>(name: N) {
  const nursery = useNursery();
  const file = shallowRef<File | null>(null);
  const head = shallowRef<TableHead | null>(null);
  const report = shallowRef<ImportReport | null>(null);
  const fault = ref<string | null>(null);
  /** Share done of what is under way; null when nothing is. */
  const progress = ref<number | null>(null);
  let stopper: AbortController | null = null;

  async function choose(chosen: File | null) {
    file.value = chosen;
    head.value = null;
    report.value = null;
    fault.value = null;
    if (!chosen) return;
    try {
      head.value = await readHead(chosen);
    } catch (error) {
      fault.value = sentenceOf(error);
    }
  }

  /** @returns whether it came to its end */
  async function send(query: QueryInputOf<N>): Promise<boolean> {
    stopper = new AbortController();
    progress.value = 0;
    fault.value = null;
    try {
      const input = { params: nursery.params, query } as unknown as Parameters<typeof importTable<N>>[1];
      report.value = await importTable(
        name,
        input,
        file.value!,
        stopper.signal,
        (share) => (progress.value = share),
      );
      return true;
    } catch (error) {
      fault.value = stopper.signal.aborted ? say`Stopped. Nothing was taken.` : sentenceOf(error);
      return false;
    } finally {
      progress.value = null;
    }
  }
  /** What was found no longer holds once a column is changed. */
  const forget = () => (report.value = null);
  return reactive({
    file,
    head,
    report,
    fault,
    progress,
    choose,
    send,
    forget,
    stop: () => stopper?.abort(),
  });
}

/** The shape of {@link useImport} that the frame around every import works with. */
export interface TableImport<Q> {
  file: File | null;
  head: TableHead | null;
  fault: string | null;
  progress: number | null;
  report: ImportReport | null;
  choose: (file: File | null) => Promise<void>;
  send: (query: Q) => Promise<boolean>;
  stop: () => void;
}
