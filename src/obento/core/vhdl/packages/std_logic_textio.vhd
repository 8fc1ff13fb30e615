-- What this package declared stands in std_logic_1164 itself since 2008.
package std_logic_textio is
end package;
