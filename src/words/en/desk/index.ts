import { access } from './access';
import { accessMap } from './access-map';
import { api } from './api';
import { codes } from './codes';
import { common } from './common';
import { content } from './content';
import { doorsteps } from './doorsteps';
import { frame } from './frame';
import { kit } from './kit';
import { letters } from './letters';
import { mails } from './mails';
import { members } from './members';
import { money } from './money';
import { products } from './products';
import { settings } from './settings';
import { settingsPrograms } from './settings-programs';
import { settingsStaff } from './settings-staff';
import { staffMails } from './staff-mails';
import { tiers } from './tiers';

/** What only staff read, by the parts of the Desk. */
export const DESK_PARTS = {
  common,
  frame,
  kit,
  letters,
  products,
  mails,
  members,
  money,
  tiers,
  content,
  access,
  accessMap,
  doorsteps,
  api,
  codes,
  settings,
  settingsPrograms,
  settingsStaff,
  staffMails,
};

export const desk = {
  ...common,
  ...frame,
  ...kit,
  ...letters,
  ...products,
  ...mails,
  ...members,
  ...money,
  ...tiers,
  ...content,
  ...access,
  ...accessMap,
  ...doorsteps,
  ...api,
  ...codes,
  ...settings,
  ...settingsPrograms,
  ...settingsStaff,
  ...staffMails,
} as const;
