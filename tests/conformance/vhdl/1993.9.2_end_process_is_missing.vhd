-- IEEE 1076-1993 clause 9.2: at the end of the architecture
entity t is end;
architecture a of t is
begin
  process begin
    wait;
end; --! bare-end
