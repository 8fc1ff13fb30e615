-- IEEE 1076-1993 clause 8.5: := is for variables
entity t is end;
architecture a of t is
  signal s : bit;
begin
  process begin
    s := '1'; --! signal-sign
    wait;
  end process;
end;
