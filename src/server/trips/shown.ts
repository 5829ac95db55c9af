/** What open pages show of what trips did. */
import type { Topic } from '../../api';
import { never } from '../../core/base';
import type { Command } from '../../core/engine';

/** Of a command that was carried out for a person's trip. */
export function shownOf(command: Command): readonly Topic[] {
  switch (command.kind) {
    case 'record facts':
      return ['records', ...command.facts.map(({ record }): Topic => `record:${record.id}`)];
    case 'merge':
      return ['counts', 'records', 'duplicates', `record:${command.fromId}`, `record:${command.intoId}`];
    case 'ask about pair':
      return ['desk', 'duplicates'];
    case 'open deal':
      return ['counts', 'deals', `record:${command.dealId}`];
    case 'move deal':
      return ['deals', `record:${command.dealId}`];
    case 'open application':
    case 'move application':
      return ['openings', `record:${command.applicationId}`];
    case 'give task':
    case 'keep message':
    case 'ask approval':
    case 'escalate review':
    case 'close review':
      return ['desk', 'messages'];
    case 'plan touches':
      return ['messages', `thread:${command.threadId}`];
    case 'drop what is planned':
      return ['messages', 'thread:*'];
    case 'tell':
      return ['desk'];
    case 'assign':
      return ['records'];
    case 'note':
    case 'hand over':
      return [];
    default:
      return never(command);
  }
}
