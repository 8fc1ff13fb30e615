-- IEEE 1076-1993 clause 9.2: a process that neither waits nor has a sensitivity list
entity t is end;
architecture a of t is
  signal s : bit;
begin
  process begin --! limit
    s <= not s;
  end process;
end;
