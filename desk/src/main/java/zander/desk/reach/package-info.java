/**
 * Reaching servers, as the window shows it: the server book, keys, secrets, and sign-ins under way.
 * Plain models without controls.
 */
@NullMarked
package zander.desk.reach;

import org.jspecify.annotations.NullMarked;
