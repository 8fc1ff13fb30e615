<script setup lang="ts">
import { Button, Modal } from 'ant-design-vue'

import { get } from '../../api/client'
import { useResource } from '../../shared/resource'

/** Files beside other tasks of the class, of which one is taken over as a block. */
const props = defineProps<{ taskId: number; blocks: string[] }>()
const emit = defineEmits<{ close: []; take: [name: string, text: string] }>()
const { data: known, trouble } = useResource((signal) => get(`/tasks/${props.taskId}/board/blocks`, { signal }))
</script>

<template>
  <Modal open title="A block from another task" :footer="null" :width="560" @cancel="emit('close')">
    <p v-if="trouble" class="trouble">{{ trouble }}</p>
    <p v-else-if="known && !known.length" class="quiet">
      No other task of this class has a file beside its spec. A circuit on another task's board is kept there by "For".
    </p>
    <table v-else-if="known" class="plain">
      <tbody>
        <tr v-for="b in known" :key="b.task + b.name">
          <td class="mono">{{ b.name }}</td>
          <td class="quiet">{{ b.task }}</td>
          <td>
            <Button size="small" :disabled="blocks.includes(b.name)" @click="emit('take', b.name, b.text)">{{
              blocks.includes(b.name) ? 'is here' : 'Take it'
            }}</Button>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-else class="quiet">Loading…</p>
  </Modal>
</template>
