export { default } from '@/app/member-forms';
