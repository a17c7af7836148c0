import { Column, Entity, PrimaryColumn } from 'typeorm';

/** Small facts about the installation, such as which samples were loaded. */
@Entity({ name: 'installation_state' })
export class InstallationStateRow {
  @PrimaryColumn({ type: 'varchar', length: 60 })
  name: string;

  @Column({ type: 'varchar', length: 255 })
  value: string;
}
