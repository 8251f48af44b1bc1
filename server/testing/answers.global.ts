// After the API tests have shown their answers: what all of them saw becomes the description, when that is asked for.
import { writeAnswers } from './answers.ts';

export const teardown = (): void => writeAnswers();
