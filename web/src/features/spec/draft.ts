import { useDebounceFn } from '@vueuse/core'
import { message, Modal } from 'ant-design-vue'
import { computed, ref, shallowRef, watch } from 'vue'

import { get, post, put, ServerTrouble } from '../../api/client'
import type { SpecPreview, SpecView } from '../../api/schema'
import { told } from '../../shared/attempt'
import { useDraft } from '../../shared/drafts'
import { useResource } from '../../shared/resource'

const PATIENCE = 250
const SECONDS = 8

/** The text of a spec while it is written: what is kept, what it says now, and keeping it. `after` is done when it was kept. */
export function useSpecDraft(taskId: () => number, after: () => Promise<void>) {
  const saved = shallowRef<SpecView | null>(null)
  const {
    text,
    isChanged: differs,
    from,
    drop,
    done,
  } = useDraft(
    () => (saved.value ? `task ${taskId()}/spec` : ''),
    () => saved.value?.text ?? '',
  )
  const preview = shallowRef<SpecPreview | null>(null)
  /** The text that `preview` is of. */
  const shownText = ref('')
  /** The last text that gave a table: it stays to be looked at while the next one is typed. */
  const table = shallowRef<SpecPreview | null>(null)
  const isChanged = computed(() => saved.value !== null && differs.value)
  const kept = useResource((signal) => get(`/tasks/${taskId()}/spec`, { signal }))
  const looked = useResource(
    async (signal) => {
      const asked = text.value
      return { asked, found: await post(`/tasks/${taskId()}/spec/preview`, { text: asked }, { signal }) }
    },
    { lazy: true },
  )
  const look = useDebounceFn(looked.reload, PATIENCE)

  watch(kept.data, (found) => {
    if (!found) return
    saved.value = found
    preview.value = found.preview
    shownText.value = found.text
  })
  watch(from, () => text.value !== shownText.value && void look())
  watch(looked.data, (of) => {
    if (!of) return
    preview.value = of.found
    shownText.value = of.asked
  })
  watch(preview, (found) => {
    if (found?.rows.length) table.value = found
  })
  function change(value: string): void {
    text.value = value
    void look()
  }
  /** Somebody else saved a version meanwhile: theirs stays below, mine becomes the next one, or is left for theirs. */
  function clash(error: ServerTrouble): void {
    Modal.confirm({
      title: 'Somebody else saved this spec meanwhile',
      content: `Theirs is version ${Number(error.body.version)}. Yours can become the next version, above it; or look at theirs first: yours stays here as a draft.`,
      okText: 'Save mine above it',
      cancelText: 'Look at theirs',
      onOk: () => save(''),
      onCancel: async () => {
        saved.value = await get(`/tasks/${taskId()}/spec`)
        void look()
      },
    })
  }
  async function save(over = saved.value?.digest ?? ''): Promise<void> {
    if (!isChanged.value) return
    await told(async () => {
      const [about, kept] = [`task ${taskId()}/spec`, text.value]
      const found = await put(`/tasks/${taskId()}/spec`, { text: kept, over }).catch((error: unknown) => {
        if (!(error instanceof ServerTrouble) || error.status !== 409 || error.body.text === undefined) throw error
        clash(error)
        return null
      })
      if (!found) return
      done(about, kept)
      saved.value = found
      preview.value = found.preview
      await after()
      message.success(`kept as version ${found.version}`)
    })
  }
  /** A file to stand beside the spec; one that a spec in use reads makes a new version. */
  async function addFile(file: File, provided: boolean): Promise<void> {
    const form = new FormData()
    form.append('file', file)
    await told(async () => {
      const before = saved.value?.version
      const found = await post(`/tasks/${taskId()}/files`, form, { query: { provided } })
      saved.value = found
      const isNew = found.version !== before
      const anew = `${file.name} makes this version ${found.version}: the class is to be checked again`
      message.success(isNew ? anew : `${file.name} stands beside the spec`, SECONDS)
      await after()
      void look()
    })
  }
  function dropDraft(): void {
    drop()
    void look()
  }
  return {
    saved,
    text,
    from,
    dropDraft,
    preview,
    shownText,
    table,
    isChanged,
    trouble: kept.trouble,
    unheard: looked.trouble,
    change,
    save,
    addFile,
  }
}
