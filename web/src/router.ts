import { createRouter, createWebHistory } from 'vue-router'

import { useSession } from './shared/session'
import { BASE } from './shared/base'

/** Titles of the window; a lab's places say theirs themselves, and a student's pages theirs. */
const TITLES: Record<string, string> = {
  'sign-in': 'sign in',
  welcome: 'welcome',
  home: 'classes',
  'class-list': 'class list',
  mailbox: 'mailbox',
  nowhere: 'nothing here',
}

export const router = createRouter({
  history: createWebHistory(`${BASE}/`),
  scrollBehavior: (to, from) => (to.name === from.name ? false : { top: 0 }),
  routes: [
    { path: '/sign-in', name: 'sign-in', component: () => import('./pages/SignInPage.vue'), meta: { open: true } },
    { path: '/welcome/:token', name: 'welcome', component: () => import('./pages/WelcomePage.vue'), props: true, meta: { open: true } },
    { path: '/page/:token', name: 'student', component: () => import('./pages/StudentPage.vue'), props: true, meta: { open: true } },
    {
      path: '/board/:token',
      name: 'learner-board',
      component: () => import('./pages/LearnerBoardPage.vue'),
      props: true,
      meta: { open: true },
    },
    { path: '/', name: 'home', component: () => import('./pages/HomePage.vue') },
    { path: '/class/:class(\\d+)/list', name: 'class-list', component: () => import('./pages/ClassListPage.vue') },
    { path: '/mailbox', name: 'mailbox', component: () => import('./pages/MailboxPage.vue') },
    {
      path: '/lab/:lab(\\d+)/task/:task(\\d+)',
      component: () => import('./pages/LabPage.vue'),
      children: [
        { path: 'spec', name: 'spec', component: () => import('./pages/SpecPage.vue') },
        { path: 'board', name: 'board', component: () => import('./pages/BoardPage.vue') },
        { path: 'intake', name: 'intake', component: () => import('./pages/IntakePage.vue') },
        { path: 'results', name: 'results', component: () => import('./pages/ResultsPage.vue') },
        { path: 'review/:handin(\\d+)?', name: 'review', component: () => import('./pages/ReviewPage.vue') },
        { path: 'report', name: 'report', component: () => import('./pages/ReportPage.vue') },
        { path: 'feedback', name: 'feedback', component: () => import('./pages/FeedbackPage.vue') },
      ],
    },
    { path: '/:rest(.*)', name: 'nowhere', component: () => import('./pages/NowherePage.vue') },
  ],
})

router.beforeEach(async (to) => {
  if (to.meta.open) return true
  const session = useSession()
  if (await session.ensure()) return true
  return { name: 'sign-in', query: to.fullPath === '/' ? {} : { next: to.fullPath } }
})
router.afterEach((to) => {
  const title = TITLES[String(to.name)]
  if (title) document.title = `${title} · Obento`
})
