// Stands in for eval in a package that only probes whether it may use it; our content policy says no.
module.exports = () => {
  throw new EvalError('Evaluating strings is off.');
};
