// Debian's dovecot on a port of its own, with one mailbox: its messages are files, so that thousands lie there at once.
import { execFileSync, spawn } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';

export const mailbox = { imapUser: 'desk', imapPassword: 'rope' };

/** Starts it; answers where it listens, lays a message into it, ends it. */
export function imap(port) {
  const home = fs.mkdtempSync(path.join(os.tmpdir(), 'solvenda-imap-'));
  const fresh = path.join(home, 'mail', mailbox.imapUser, 'new');
  for (const folder of ['new', 'cur', 'tmp']) fs.mkdirSync(path.join(home, 'mail', mailbox.imapUser, folder), { recursive: true });
  // Run by root it works as those users that its package brings, else as whoever runs it.
  const who = os.userInfo().username;
  const [inner, login] = who === 'root' ? ['dovecot', 'dovenull'] : [who, who];
  fs.writeFileSync(path.join(home, 'users'), `${mailbox.imapUser}:{PLAIN}${mailbox.imapPassword}\n`);
  fs.writeFileSync(
    path.join(home, 'dovecot.conf'),
    `base_dir = ${home}/run
state_dir = ${home}/state
log_path = ${home}/log
protocols = imap
ssl = no
disable_plaintext_auth = no
default_internal_user = ${inner}
default_login_user = ${login}
default_internal_group = ${inner}
first_valid_uid = 0
mail_location = maildir:${home}/mail/%u
mail_uid = ${inner}
mail_gid = ${inner}
passdb {
  driver = passwd-file
  args = ${home}/users
}
userdb {
  driver = static
  args = uid=${inner} gid=${inner} home=${home}/mail/%u
}
service imap-login {
  chroot =
  inet_listener imap {
    address = 127.0.0.1
    port = ${port}
  }
  inet_listener imaps {
    port = 0
  }
}
service anvil {
  chroot =
}
service stats {
  chroot =
}
`,
  );
  const allowed = () => execFileSync('chmod', ['-R', 'a+rwX', home]);
  allowed();
  const child = spawn('/usr/sbin/dovecot', ['-F', '-c', path.join(home, 'dovecot.conf')], { stdio: 'ignore' });
  return {
    server: `127.0.0.1:${port}`,
    /** Lays them there all at once. */
    lay(texts) {
      texts.forEach((text, n) => fs.writeFileSync(path.join(fresh, `${n + 1}.made`), text));
      allowed();
    },
    end() {
      child.kill('SIGTERM');
      fs.rmSync(home, { recursive: true, force: true });
    },
  };
}
