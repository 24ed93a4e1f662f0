import { useEffect, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { request, sentenceOf } from '../api/client';
import { live } from '../api/live';
import { Message } from '../ui/Message';

/** Where the printed link leads: changes its token for a cookie and goes home. */
export function SignInPage({ onSignedIn }: { onSignedIn: () => void }) {
  const { token } = useParams();
  const navigate = useNavigate();
  const [fault, setFault] = useState<string | null>(null);
  useEffect(() => {
    request('POST', '/sign-in', { token })
      .then(async () => {
        live.open();
        onSignedIn();
        await navigate('/', { replace: true });
      })
      .catch((error: unknown) => setFault(sentenceOf(error)));
  }, [token, navigate, onSignedIn]);
  return <Message title={fault === null ? 'Signing in …' : 'This link does not work'} text={fault ?? ''} />;
}
