/** What the desktop of this computer offers to files here. */
package zander.core.local;
