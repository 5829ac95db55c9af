'use client';
import { TextArea } from '../../kit/TextArea';
import { useState } from 'react';
import type { Form } from '../../../core/intake';
import './forms.css';

/** What somebody typed as a site, as the browser will name it: `my-firm.example/contact` is https://my-firm.example. */
function siteOrigin(line: string): string | undefined {
  if (line === '') return undefined;
  const address = /^https?:/i.test(line) ? line : `https://${line}`;
  return URL.canParse(address) ? new URL(address).origin : undefined;
}

interface ShareProps {
  readonly name: string;
  readonly slug: string;
  readonly publicUrl: string;
  readonly form: Form;
  readonly mayChange: boolean;
  readonly onForm: (form: Form) => void;
}

/** Where a form stands: its own page, and the sites that may show it. */
export function FormShare({ name, slug, publicUrl, form, mayChange, onForm }: ShareProps) {
  const [typed, setTyped] = useState(form.embedOn.join('\n'));
  const address = `${publicUrl}/f/${slug}`;
  const frame = `<iframe src="${address}?inside" title="${name.replace(/["&<]/g, '')}" style="width:100%;height:640px;border:0"></iframe>`;
  return (
    <div className="cols">
      <section className="col paper share grow">
        <h2>Its own page</h2>
        <p>
          <a href={`/f/${slug}`} target="_blank" rel="noreferrer">
            {address}
          </a>
        </p>
        <h2>Inside a page of your site</h2>
        <p className="quiet">
          Name the sites that may show it, one a line, such as https://www.my-firm.example. Nobody else can put it into a page of theirs.
        </p>
        <TextArea
          label="Sites that may show the form"
          rows={2}
          value={typed}
          disabled={!mayChange}
          placeholder="no site: the form has its own page only"
          onChange={setTyped}
          onBlur={() => {
            const embedOn = [...new Set(typed.split(/[\s,]+/).flatMap((line) => siteOrigin(line) ?? []))];
            setTyped(embedOn.join('\n'));
            if (embedOn.join() !== form.embedOn.join()) onForm({ ...form, embedOn });
          }}
        />
        <p className="quiet">Then put this where the form is to stand. It takes on the width it is given.</p>
        <TextArea label="Code for your site" rows={2} value={frame} readOnly isCode />
        <h2>How it is guarded</h2>
        <p className="quiet">
          Eight entries in ten minutes for one sender; a field that only machines fill in; files of at most 8 MB, told apart by what is in
          them; an answer sent twice is one entry. None of this can be switched off.
        </p>
      </section>
    </div>
  );
}
