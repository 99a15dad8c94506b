import type { Device } from '@gravek/contract/account';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { formatDistanceToNowStrict } from 'date-fns';
import Button from 'react-bootstrap/Button';
import { api, sentenceOf } from '../api/client';
import { Loaded } from '../controls/Notice';
import { dayName } from '../controls/dates';
import { tell } from '../controls/toasts';

const DEVICES = ['devices'];

/** Where this account is signed in; one device or all others are signed out from here. */
export const Devices = () => {
  const client = useQueryClient();
  const devices = useQuery({ queryKey: DEVICES, queryFn: () => api.get<Device[]>('/devices') });
  const end = async (id: string | null): Promise<void> => {
    try {
      client.setQueryData(DEVICES, await api.post<Device[]>('/devices/end', { id }));
      tell(id === null ? 'All other devices are signed out.' : 'That device is signed out.');
    } catch (error) {
      tell(sentenceOf(error));
    }
  };
  return (
    <div>
      <h3 className="figure-label mb-1">Signed in on</h3>
      <Loaded query={devices} what="Getting the devices …">
        {(list) => (
          <>
            <ul className="list-plain" aria-label="Signed in on">
              {list.map(({ id, device, since, seen, here }) => (
                <li key={id} className="row-line">
                  <div>
                    {device}
                    {here && <strong>, this device</strong>}
                    <div className="quiet small-text">
                      since {dayName(since.slice(0, 10))}
                      {!here &&
                        `, last used ${formatDistanceToNowStrict(new Date(seen), { addSuffix: true })}`}
                    </div>
                  </div>
                  {!here && (
                    <Button
                      size="sm"
                      variant="outline-dark"
                      className="ms-auto"
                      onClick={() => void end(id)}
                    >
                      Sign out
                    </Button>
                  )}
                </li>
              ))}
            </ul>
            {list.length > 2 && (
              <Button
                size="sm"
                variant="outline-dark"
                className="mt-2"
                onClick={() => void end(null)}
              >
                Sign out all others
              </Button>
            )}
          </>
        )}
      </Loaded>
    </div>
  );
};
