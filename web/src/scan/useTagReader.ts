import { say, inWords } from '@kauri/core';
import { transfer, wrap, type Remote } from 'comlink';
import { onScopeDispose, ref, shallowRef } from 'vue';
import type { TagsWorker } from '../workers/tags.worker';

/** Between one look of the camera and the next, ms: a hand holds a tag still for longer, and the battery lasts. */
const REST_MS = 120;

/** Why a camera cannot be looked through, as the browser names it. */
const refusals: Readonly<Record<string, string>> = inWords({
  NotAllowedError:
    'The camera was refused. Allow it in the browser’s settings, read a photo, or type the code.',
  NotFoundError: 'There is no camera here. Read a photo, or type the code.',
  NotReadableError: 'The camera is in use elsewhere. Close what uses it and try again, or type the code.',
});

/** Reads the codes on tags: through the camera as long as it runs, or of a photo. */
export function useTagReader(read: (codes: readonly string[]) => void) {
  let worker: Worker | null = null;
  let reader: Remote<TagsWorker> | null = null;
  const codesOf = (picture: ImageBitmap) => {
    worker ??= new Worker(new URL('../workers/tags.worker.ts', import.meta.url), { type: 'module' });
    reader ??= wrap<TagsWorker>(worker);
    return reader.read(transfer(picture, [picture]));
  };

  const stream = shallowRef<MediaStream | null>(null);
  /** Why the camera does not run; null while it does, or was not asked for. */
  const trouble = ref<string | null>(null);
  const starting = ref(false);
  /** Whether there is a lamp, and whether it is lit. */
  const torch = ref<'none' | 'off' | 'on'>('none');
  let looks = 0;

  async function start(video: HTMLVideoElement): Promise<void> {
    stop();
    const look = ++looks;
    trouble.value = null;
    // Only an address the browser trusts is given a camera.
    if (!navigator.mediaDevices) {
      trouble.value = say`The browser gives no camera to this address: it must begin with https. Read a photo, or type the code.`;
      return;
    }
    starting.value = true;
    try {
      const seen = await navigator.mediaDevices.getUserMedia({
        video: { facingMode: 'environment', width: { ideal: 1280 } },
      });
      if (look !== looks) return seen.getTracks().forEach((track) => track.stop());
      stream.value = seen;
      video.srcObject = seen;
      await video.play();
      const [track] = seen.getVideoTracks();
      const can = track.getCapabilities?.() as { torch?: boolean } | undefined;
      torch.value = can?.torch ? 'off' : 'none';
      void watch(video, look);
    } catch (error) {
      const { name } = error as Error;
      if (look === looks && name !== 'AbortError')
        trouble.value =
          refusals[name] ?? say`The camera could not be started. Read a photo, or type the code.`;
    } finally {
      if (look === looks) starting.value = false;
    }
  }

  async function watch(video: HTMLVideoElement, look: number): Promise<void> {
    while (look === looks) {
      try {
        if (video.videoWidth > 0) {
          const codes = await codesOf(await createImageBitmap(video));
          if (look === looks && codes.length) read(codes);
        }
      } catch {
        // A frame between two sizes, or of a camera just taken away, cannot be read; the next may be.
      }
      await new Promise((resolve) => setTimeout(resolve, REST_MS));
    }
  }

  function stop(): void {
    looks++;
    stream.value?.getTracks().forEach((track) => track.stop());
    stream.value = null;
    starting.value = false;
    torch.value = 'none';
  }

  async function light(): Promise<void> {
    const track = stream.value?.getVideoTracks()[0];
    const on = torch.value === 'off';
    await track
      ?.applyConstraints({ advanced: [{ torch: on } as MediaTrackConstraintSet] })
      .catch(() => undefined);
    if (track) torch.value = on ? 'on' : 'off';
  }

  /** @throws Error with a sentence for a file that is no picture, or shows no code */
  async function readPhoto(photo: File): Promise<readonly string[]> {
    const picture = await createImageBitmap(photo).catch(() => {
      throw new Error(say`${photo.name} is no picture that can be read.`);
    });
    const codes = await codesOf(picture);
    if (!codes.length)
      throw new Error(say`No code is to be seen in that picture: take it closer, square on, without glare.`);
    return codes;
  }

  onScopeDispose(() => {
    stop();
    worker?.terminate();
  });
  return { start, stop, stream, starting, trouble, torch, light, readPhoto };
}
