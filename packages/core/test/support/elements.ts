import type { Contract, Reasons } from '@isomeros/core/contract';

/** Every element of a contract that must have reasons, with where it stands. */
export function* elements(contract: Contract): Generator<[where: string, reasons: Reasons]> {
  for (const resource of contract.resources) {
    yield [resource.path, resource.reasons];
    for (const link of resource.links) yield [`${resource.path} link ${link.relation}`, link.reasons];
  }
  for (const operation of contract.operations) {
    yield [operation.id, operation.reasons];
    for (const parameter of operation.query) yield [`${operation.id}?${parameter.name}`, parameter.reasons];
    for (const response of operation.responses) yield [`${operation.id} ${response.code}`, response.reasons];
  }
  for (const shape of contract.shapes) {
    yield [shape.name, shape.reasons];
    for (const member of shape.members) yield [`${shape.name}.${member.name}`, member.reasons];
  }
  for (const finding of contract.findings) yield [`finding ${finding.id}`, finding.reasons];
  for (const assumption of contract.assumptions) yield [`assumption ${assumption.id}`, assumption.reasons];
}
