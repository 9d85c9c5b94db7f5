import { useQuery } from '@tanstack/react-query'
import { useState, type FormEvent } from 'react'
import { Link, useLocation } from 'react-router'
import { call } from '../api'
import type { InvitationShown } from '../types'
import { Field, WhatWasRefused } from '../Field'
import { NewPasswordField, OwnNameField } from '../PersonFields'
import { useSession } from './queries'
import { useFields } from '../useFields'
import { usePost } from '../usePost'
import { Door } from './Door'
import { t } from './words'

/** Where the link of an invitation leads: a name and a password, once. */
export function InvitationPage() {
  const secret = useLocation().hash.slice(1)
  // The session brings the token that goes with every change.
  const session = useSession()
  const invitation = useQuery({
    queryKey: ['invitation', secret],
    queryFn: () => call('POST', '/invitations/look', { secret }),
    enabled: session.isSuccess,
    retry: false,
    staleTime: Infinity,
  })
  const [isDone, setDone] = useState(false)
  if (invitation.isError)
    return (
      <Door>
        <h1>{t('thisInvitationCannotBeUsed')}</h1>
        <p>{invitation.error.message}</p>
      </Door>
    )
  if (!invitation.data) return <Door>{t('opening')}</Door>
  if (isDone)
    return (
      <Door>
        <h1>{t('youBelongToItNow', { organisationName: invitation.data.organisationName })}</h1>
        <p>
          <Link className="btn btn-spruce" to="/plan">
            {t('signIn')}
          </Link>
        </p>
      </Door>
    )
  return <Accept secret={secret} invitation={invitation.data} onDone={() => setDone(true)} />
}

function Accept({ secret, invitation, onDone }: { secret: string; invitation: InvitationShown; onDone: () => void }) {
  const { problem, isBusy, post } = usePost()
  const { values, text } = useFields({ name: '', password: '' })
  const accept = async (event: FormEvent) => {
    event.preventDefault()
    if (await post(() => call('POST', '/invitations/accept', { secret, ...values }))) onDone()
  }
  return (
    <Door>
      <h1>{invitation.organisationName}</h1>
      <p>{t.rich('invitesYou', { invitedBy: invitation.invitedBy, email: invitation.email }, <b />)}</p>
      <form onSubmit={accept} noValidate>
        {invitation.isKnown ? (
          <>
            <p>{t('youHaveAnAccountWith')}</p>
            <Field
              id="password"
              label={t('yourPassword')}
              problem={problem}
              type="password"
              autoComplete="current-password"
              {...text('password')}
            />
          </>
        ) : (
          <>
            <OwnNameField problem={problem} {...text('name')} />
            <NewPasswordField id="password" label={t('password')} problem={problem} {...text('password')} />
          </>
        )}
        <WhatWasRefused problem={problem} fields={['name', 'password']} />
        <button type="submit" className="btn btn-spruce" disabled={isBusy}>
          {t('acceptTheInvitation')}
        </button>
      </form>
    </Door>
  )
}
