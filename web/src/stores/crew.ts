import type { BodyInputOf, Crew } from '@kauri/core/contract';
import { defineStore } from 'pinia';
import { v7 as newId } from 'uuid';
import { shallowRef } from 'vue';
import { call } from '../api/client';
import { ProblemError } from '../api/problem';
import { newSecret } from '../door/linkSecret';
import { useNursery } from './nursery';

type Role = BodyInputOf<'invite'>['role'];

/** Everybody of the nursery, for its owner. */
export const useCrew = defineStore('crew', () => {
  const nursery = useNursery();
  const crew = shallowRef<Crew | null>(null);
  const at = (person: string) => ({ ...nursery.params, person });

  async function load(): Promise<void> {
    crew.value = await call('crew', { params: nursery.params });
  }
  /** @returns the link to give, which is known to nobody but whoever holds it */
  async function invite(id: string, name: string, role: Role): Promise<string> {
    const secret = newSecret();
    crew.value = await call('invite', { params: nursery.params, body: { id, name, role, secret } });
    return `${location.origin}/join#${secret}`;
  }
  async function withdraw(invite: string): Promise<void> {
    crew.value = await call('withdrawInvite', {
      params: { ...nursery.params, invite },
      body: { id: newId() },
    });
  }
  /** What somebody else did meanwhile is shown as it stands now. */
  async function changeRole(person: string, was: Role, role: Role): Promise<void> {
    try {
      crew.value = await call('changeRole', { params: at(person), body: { id: newId(), was, role } });
    } catch (error) {
      if (error instanceof ProblemError && error.kind === 'stale-edit')
        crew.value = error.problem.current as Crew;
      throw error;
    }
  }
  async function remove(person: string): Promise<void> {
    crew.value = await call('removePerson', { params: at(person), body: { id: newId() } });
  }
  async function passwordLink(person: string): Promise<string> {
    const secret = newSecret();
    await call('makePasswordLink', { params: at(person), body: { id: newId(), secret } });
    return `${location.origin}/password#${secret}`;
  }
  async function speak(language: string): Promise<void> {
    await call('setLanguage', { params: nursery.params, body: { language } });
  }
  return { crew, load, speak, invite, withdraw, changeRole, remove, passwordLink };
});
