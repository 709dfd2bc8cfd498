/** Secrets kept on disk, sealed under a master passphrase. */
package zander.core.vault;
