// The runner keeps a hundred frames of every stack, which the database's client takes with each question.
Error.stackTraceLimit = 10;
