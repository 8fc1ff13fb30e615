// IEEE 1800-2017 clause 7.2.2: initial values of members of an unpacked structure
module t;
  typedef struct { int size = 5; logic [3:0] kind; bit on = 1; } item_t;
  item_t a, b = '{size: 2, default: 0};
  initial begin
    $display("%0d %b %b", a.size, a.kind, a.on);
    $display("%0d %b %b", b.size, b.kind, b.on);
  end
endmodule
//> 5 xxxx 1
//> 2 0000 0
