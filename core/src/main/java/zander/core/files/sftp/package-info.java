/** The file service of a server: the protocol (draft-ietf-secsh-filexfer-02) and its extensions. */
@NullMarked
package zander.core.files.sftp;

import org.jspecify.annotations.NullMarked;
