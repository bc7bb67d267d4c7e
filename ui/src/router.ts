import { createRouter, createWebHistory } from 'vue-router'

export const router = createRouter({
    history: createWebHistory(),
    routes: [
        { path: '/', component: () => import('./platforms/PlatformsView.vue') },
        { path: '/library/:identity?', component: () => import('./library/LibraryView.vue') },
        { path: '/boards/:identity/:how(edit|copy)', component: () => import('./boards/BoardEditor.vue') },
        { path: '/boards/:identity?', component: () => import('./boards/BoardsView.vue') },
        { path: '/blocks/:identity?/edit', component: () => import('./blocks/OwnBlockEditor.vue') },
        { path: '/new', component: () => import('./platforms/NewPlatformView.vue') },
        {
            path: '/p/:id',
            component: () => import('./frame/PlatformFrame.vue'),
            redirect: (to) => `/p/${String(to.params.id)}/compose`,
            children: [
                { path: 'compose', component: () => import('./compose/ComposeView.vue') },
                { path: 'addresses', component: () => import('./addresses/AddressesView.vue') },
                { path: 'interrupts', component: () => import('./interrupts/InterruptsView.vue') },
                { path: 'clocks', component: () => import('./clocks/ClocksView.vue') },
                { path: 'pins', component: () => import('./pins/PinsView.vue') },
                { path: 'fit', component: () => import('./fit/FitView.vue') },
                { path: 'hardware', component: () => import('./hardware/HardwareView.vue') },
                { path: 'handoff', component: () => import('./handoff/HandoffView.vue') },
                { path: 'boot', component: () => import('./boot/BootView.vue') },
                { path: 'history', component: () => import('./history/HistoryView.vue') },
                { path: 'bench', component: () => import('./bench/BenchView.vue') },
            ],
        },
        { path: '/:rest(.*)*', component: () => import('./platforms/MissingPage.vue') },
    ],
})
