// Runs before the first paint, so that a night screen never flashes white.
(function () {
  var chosen = localStorage.getItem('wunsch.theme');
  var dark = chosen ? chosen === 'night' : matchMedia('(prefers-color-scheme: dark)').matches;
  document.documentElement.dataset.theme = dark ? 'night' : 'day';
})();
