-- IEEE 1076-1993 clause 8.7: a bit is none
entity t is end;
architecture a of t is
  signal s : integer := 1;
begin
  process (s) begin
    if s then --! condition
      report "x";
    end if;
  end process;
end;
