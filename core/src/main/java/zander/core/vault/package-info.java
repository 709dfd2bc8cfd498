/** Secrets kept on disk, sealed under a master passphrase. */
@NullMarked
package zander.core.vault;

import org.jspecify.annotations.NullMarked;
