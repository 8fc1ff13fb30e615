// IEEE 1800-2017 clause 7.4: a memory of packed structures, written by members
module t;
  typedef struct packed { logic valid; logic [6:0] tag; } line;
  line cache[4];
  initial begin
    foreach (cache[i]) cache[i] = '0;
    cache[2].valid = 1;
    cache[2].tag = 7'h55;
    foreach (cache[i]) $write("%h ", cache[i]);
    $display("%b", cache[2].tag[0]);
  end
endmodule
//> 00 00 d5 00 1
