import { CompactEncrypt, importJWK } from 'jose';
import { readWaiting } from '~/core/entries/waiting';
import { provideReading } from './device-store';
import { provideSealing } from './locked';

// What keeps an entry without network has to be there before the network goes: with the bar that saves it.
provideSealing({ CompactEncrypt, importJWK });
provideReading(readWaiting);
