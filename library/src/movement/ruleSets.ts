import type { NamedRuleSet } from '@gravek/contract/ruleSet';
import data from '../../data/ruleSets.json';

/** Step rules that ship with the application; the competition's own book decides. */
export const RULE_SETS = data as unknown as readonly NamedRuleSet[];
