-- IEEE 1076-1993 clause 14.2: end the run
entity t is end;
architecture a of t is
begin
  process
    variable n : integer := integer'high;
  begin
    n := n + 1; --! run
    wait;
  end process;
end;
