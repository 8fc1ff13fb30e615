-- IEEE 1076-1993 clause 8.1: a process has one or the other
entity t is end;
architecture a of t is
  signal s : bit;
begin
  process (s) begin
    wait for 1 ns; --! wait
  end process;
end;
