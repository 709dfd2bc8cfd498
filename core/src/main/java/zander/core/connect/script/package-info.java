/**
 * A file service of a server's own tools, in {@code sh}: for an account that can run commands where
 * nothing serves its files. Requests of SFTP become lines of a script, and what that prints becomes
 * answers, so that all who ask for files know nothing of it.
 */
@NullMarked
package zander.core.connect.script;

import org.jspecify.annotations.NullMarked;
