import type { ComponentProps } from 'react';

/** A form that the page answers itself: Enter in a field, or its button. */
export function Form({ onSubmit, ...rest }: Omit<ComponentProps<'form'>, 'onSubmit'> & { onSubmit: () => void }) {
  return (
    <form
      {...rest}
      onSubmit={(event) => {
        event.preventDefault();
        onSubmit();
      }}
    />
  );
}
