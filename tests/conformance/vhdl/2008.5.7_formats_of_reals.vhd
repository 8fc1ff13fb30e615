-- IEEE 1076-2008 clause 5.7: `to_string` of a real number takes a format or a number of digits
entity t is end;
architecture a of t is
begin
  process
  begin
    report to_string(3.14159, "%8.3f") & "|" & to_string(2.5, 2) & "|" & to_string(0.5, "%-6.1e") & "|";
    wait;
  end process;
end;
--> note:    3.142|2.50|5.0e-01|
