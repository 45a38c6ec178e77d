import { useQuery } from '@tanstack/react-query';
import { figure } from '@velarium/core';
import { useDeferredValue, useState } from 'react';
import { countriesQuery } from '../../api/queries.ts';
import { Field } from '../../ui/field.tsx';

const names = new Intl.DisplayNames('en-GB', { type: 'region' });

/** Where the countries of visitors are known from; any address can be tried. */
export function CountrySourceNote() {
  const [address, setAddress] = useState('');
  const asked = useDeferredValue(address.trim());
  const { data } = useQuery({ ...countriesQuery(asked), placeholderData: (old) => old });
  if (!data) return null;
  const { header, networks, country } = data;
  const file =
    networks === 0
      ? 'The server has no country file'
      : `The server’s country file knows ${figure(networks)} networks`;
  return (
    <section className="grid gap-3">
      <h2 className="font-serif text-xl">Countries</h2>
      <p className="text-soft">
        {header === null
          ? `${file}.`
          : `${file}; what the proxy says in the header ${header} counts before it.`}
        {header === null &&
          networks === 0 &&
          ' Every visitor’s country is unknown, which is a value of its own in audiences.'}
      </p>
      {networks > 0 && (
        <Field
          label="Try an address"
          placeholder="192.0.2.1"
          value={address}
          maxLength={60}
          spellCheck={false}
          onChange={(event) => setAddress(event.target.value)}
          hint={
            asked === ''
              ? 'An IP address, as visitors come from.'
              : country === null
                ? 'Not known.'
                : `${names.of(country.toUpperCase()) ?? country}.`
          }
        />
      )}
    </section>
  );
}
