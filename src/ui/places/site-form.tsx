'use client';
import { inHtml } from '@/ui/kit/in-html';
import { lateResolver } from '@/ui/kit/late-resolver';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { now } from '@/device/clock';
import { enterSite } from '@/device/enter';
import type { OfficeError } from '@/device/office';
import { Button } from '@/ui/kit/button';
import { Field, FIELD } from '@/ui/kit/field';
import { useFormDraft } from '@/ui/kit/use-draft';
import type { SiteForm } from '@/wire/places';
import { uuid7 } from '@/wire/uuid7';

/** A place: its name, where it is and whose it is. A new one gets its first system then. */
export function SiteFormView({ site }: { site?: SiteForm }) {
  const [trouble, setTrouble] = useState('');
  const [id] = useState(() => site?.id ?? uuid7(now()));
  const form = useForm<SiteForm>({
    resolver: lateResolver(() => import('@/wire/places').then((m) => m.siteSchema)),
    defaultValues: site ?? { id, name: '', address: '', customer: '' },
  });
  const { handleSubmit } = form;
  const register = inHtml(form);
  const { errors, isSubmitting } = form.formState;
  const { offer, sent } = useFormDraft(form, site ? `site/${site.id}` : 'site');
  const save = async (value: SiteForm) => {
    setTrouble('');
    try {
      await enterSite(value);
      sent();
      location.assign(site ? '/places' : `/places/site/${value.id}/new`);
    } catch (error) {
      setTrouble((error as OfficeError).message);
    }
  };
  return (
    <form className="mt-4 grid max-w-xl gap-4" noValidate onSubmit={(e) => void handleSubmit(save)(e)}>
      {offer}
      <Field label="Name of the place" wrong={errors.name?.message}>
        {(ids) => (
          <input {...ids} className={FIELD} {...register('name')} placeholder="Fulling mill, upper floor" />
        )}
      </Field>
      <Field label="Address" wrong={errors.address?.message}>
        {(ids) => <input {...ids} className={FIELD} {...register('address')} />}
      </Field>
      <Field label="Customer" wrong={errors.customer?.message}>
        {(ids) => <input {...ids} className={FIELD} {...register('customer')} />}
      </Field>
      <p role="alert" className="text-rust">
        {trouble}
      </p>
      <Button type="submit" tone="act" className="min-h-14 text-lg" disabled={isSubmitting}>
        {site ? 'Save the place' : 'Save the place, then enter its system'}
      </Button>
    </form>
  );
}
