import type { Right } from '@/core/staff';
import { desk } from '@/words/desk';

type Slugged<Text extends string> = Text extends `${infer First} ${infer Rest}`
  ? `${First}-${Slugged<Rest>}`
  : Text;
const slug = <Text extends string>(text: Text): Slugged<Text> => text.replaceAll(' ', '-') as Slugged<Text>;

/** What a right lets staff do. */
export const rightWords = (right: Right): string => desk(`desk-settings.right-${slug(right)}`);
