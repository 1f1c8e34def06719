import '@core/no-eval';
import { type Implementation, IMPLEMENTATIONS } from './implementations';
import { serveTask } from './serve-task';
import type { TaskName } from './task-table';

// Its owner names a worker by its task.
serveTask(IMPLEMENTATIONS[self.name as TaskName] as Implementation<never>);
