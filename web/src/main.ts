/** Where the page begins: fonts, styles, stores and routes, put together. */
import "@fontsource-variable/bricolage-grotesque";
import "@fontsource-variable/figtree";
import "@fontsource/atkinson-hyperlegible-mono";
import "@fontsource/atkinson-hyperlegible-mono/700.css";
import "@/theme/tokens.css";
import "@/theme/base.css";
import { createPinia } from "pinia";
import { createApp } from "vue";
import App from "@/App.vue";
import { router } from "@/router";
import { paintLeafMarks } from "@/theme/leafMarks";

paintLeafMarks();

createApp(App).use(createPinia()).use(router).mount("#app");
