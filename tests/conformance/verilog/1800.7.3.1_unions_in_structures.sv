// IEEE 1800-2017 clause 7.3.1: one member of two views beside others
module t;
  typedef union packed { logic [7:0] whole; struct packed { logic [3:0] hi, lo; } half; } byte_t;
  typedef struct packed { byte_t b; logic parity; } word_t;
  word_t w;
  initial begin
    w.b.whole = 8'h5A;
    w.parity = ^w.b.whole;
    $display("%h %h %b", w.b.half.hi, w.b.half.lo, w.parity);
    w.b.half.lo = 4'h7;
    w.parity = ^w.b;
    $display("%h %b %h", w.b, w.parity, w);
  end
endmodule
//> 5 a 0
//> 57 1 0af
