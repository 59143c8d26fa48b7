import type { Metadata } from 'next';
import { Link } from '@/kit/link';
import { notFound } from 'next/navigation';
import { currentActor, requireStaff, shown } from '@/app/session';
import { rolesPlace } from '@/desk/services/staff-roles';
import { RoleForm } from '@/desk/ui/role-form';
import { desk } from '@/words/desk';
import { saveRoleAction } from '../../actions';

type Params = { params: Promise<{ role: string }> };

export const metadata: Metadata = { title: desk('desk-settings.staff-settings') };

export default async function RolePage({ params }: Params) {
  await requireStaff('set up the site');
  const { role } = await params;
  const { roles, categories } = await shown(rolesPlace(await currentActor()));
  const powers = roles.find((one) => one.role === role);
  if (!powers || powers.role === 'owner') notFound();
  return (
    <>
      <p className="mt-4">
        <Link href="/desk/settings/staff" className="text-spruce underline">
          {desk('desk-settings.all-staff')}
        </Link>
      </p>
      <h2 className="mt-2 text-xl">{desk('desk-settings.what-may', { role: powers.role })}</h2>
      <RoleForm powers={powers} categories={categories} save={saveRoleAction} />
    </>
  );
}
