// Before the first paint: the theme chosen last time, else the light one.
document.documentElement.dataset.theme = localStorage.getItem('theme') === 'dark' ? 'dark' : 'light';
