// IEEE 1800-2017 clause 7.4.3: parts of parts of parts
module t;
  typedef struct packed { logic [1:0][3:0] n; logic [7:0] b; } word;
  word w [0:1];
  initial begin
    w[0] = 16'habcd; w[1] = 16'h1234;
    $display("%h %h %h", w[0].n[1], w[0].n[0][3:2], w[1].b[7:4]);
    w[1].n[0][1:0] = 2'b11; $display("%h", w[1]);
    w[0].b[3] = 0; $display("%h", w[0]);
    for (int i = 0; i < 2; i++) w[i].n[i] = 4'(i + 5);
    $display("%h %h", w[0], w[1]);
  end
endmodule
//> a 2 3
//> 1334
//> abc5
//> a5c5 6334
