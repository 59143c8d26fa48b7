'use server';

import { redirect } from 'next/navigation';
import { draftsOf, forForm, type FormState } from '@/app/form-state';
import { currentActor } from '@/app/session';
import { saveDoorstepOfItem, saveSiteDoorstep } from '@/access/services/doorsteps';
import { desk } from '@/words/desk';

/** The fields of the form have their names within the doorstep. */
const within = (problems: FormState['problems']): FormState['problems'] =>
  Object.fromEntries(
    Object.entries(problems).map(([name, words]) => [name === '' ? '' : `doorstep.${name}`, words]),
  );

export async function saveSiteDoorstepAction(
  _: FormState,
  _form: FormData,
  sent?: unknown,
): Promise<FormState> {
  const { doorstep } = draftsOf(sent);
  const state = await forForm(saveSiteDoorstep(await currentActor(), doorstep), () => ({
    problems: {},
    message: desk('desk-access.doorstep-saved'),
  }));
  return { ...state, problems: within(state.problems) };
}

export async function saveItemDoorstepAction(
  _: FormState,
  _form: FormData,
  sent?: unknown,
): Promise<FormState> {
  const { doorstep } = draftsOf(sent);
  return forForm(saveDoorstepOfItem(await currentActor(), doorstep), () =>
    redirect('/desk/access/doorsteps'),
  );
}
