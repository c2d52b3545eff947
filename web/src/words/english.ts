import { speak } from './language';

// Tests speak English, which stands in the code.
await speak('en', ['en']);
